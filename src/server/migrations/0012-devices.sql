-- Who comes in from outside this machine. One row tells of the door: whether it stands open, the key that cookies are
-- signed with, the code that is given out, how many wrong ones came, and until when it is shut after them.
create table door (
  one boolean constraint door_pk primary key default true constraint door_once check (one),
  open boolean not null default false,
  key text,
  code text,
  code_until timestamptz,
  wrong integer not null default 0,
  shut_until timestamptz
);
insert into door default values;

-- The telephones that were let in; a backup does not hold them.
create table devices (
  id text constraint devices_pk primary key,
  name text not null,
  made_at timestamptz not null,
  used_at timestamptz not null
);
