-- Of each chart one route may be in hand: what is laid over it now. A change that put another one away says which.
alter table routes add column in_hand boolean not null default false;
create unique index routes_in_hand on routes (chart_id) where in_hand and deleted_at is null;
alter table changes add column put_away text;
