-- +goose Up
-- A hold goes through parts, whatever its school; a practice has a default school
-- and may tune copies of its own.
alter table hold rename column stages to parts;
alter table practice add column protocol text not null default 'graded-stages';

create table own_protocol (
    practice_id uuid not null references practice (id),
    id          uuid not null,
    protocol    text not null,
    name        text not null check (length(name) between 1 and 60),
    numbers     jsonb not null,
    primary key (practice_id, id),
    unique (practice_id, name)
);

alter table own_protocol enable row level security;
alter table own_protocol force row level security;
create policy of_practice on own_protocol
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on own_protocol from public;
grant select, insert, update, delete on own_protocol to mokren_app;

-- +goose Down
drop table own_protocol;
alter table practice drop column protocol;
alter table hold rename column parts to stages;
