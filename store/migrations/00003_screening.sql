-- +goose Up
-- The present state of each visit's screening: its answers, and what a
-- clinician has cleared since. Later visits are read against earlier ones.
create table screening (
    practice_id uuid   not null,
    client_id   uuid   not null,
    visit_id    uuid   not null,
    place       int    not null,
    question    text   not null,
    answer      text   not null check (answer in ('yes', 'no', 'unknown', 'cleared')),
    side        text   not null,
    regions     text[] not null,
    note        text   not null,
    primary key (practice_id, visit_id, place),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
create index screening_by_client on screening (practice_id, client_id);
alter table screening enable row level security;
alter table screening force row level security;
create policy of_practice on screening
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on screening from public;
grant select, insert, delete on screening to mokren_app;

-- +goose Down
drop table screening;
