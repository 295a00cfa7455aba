-- Wrong passwords are counted by name and place, so that a stranger closes nobody's door,
-- and for names that nobody has, so that no answer tells which exist. A place is a network
-- address, or a device that has signed in before.
-- +goose Up
create table attempt (
    name   bytea       not null, -- hash of the e-mail
    place  text        not null,
    wrong  int         not null,
    at     timestamptz not null,
    primary key (name, place)
);
-- A device that has signed in: the hash of a secret that it keeps.
create table known_device (
    hash      bytea       not null primary key,
    name      bytea       not null,
    seen      timestamptz not null
);
revoke all on attempt, known_device from public;
grant select, insert, update, delete on attempt, known_device to mokren_app;

-- +goose Down
drop table known_device, attempt;
