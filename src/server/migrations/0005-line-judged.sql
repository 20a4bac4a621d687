-- Of a line: sentences of its verdict the player disputes, its notes as they were played before they were brought to a
-- grid, and the route it was planned by. Null where there is none of it.
alter table lines add column disputed jsonb;
alter table lines add column played jsonb;
alter table lines add column route_id text constraint lines_route_fk references routes (id);
