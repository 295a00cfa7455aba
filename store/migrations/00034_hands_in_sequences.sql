-- Steps of sequences in which a hand pressed: they count toward a therapist's own load like holds.
-- +goose Up
create table step_use (
    practice_id uuid   not null,
    client_id   uuid   not null,
    visit_id    uuid   not null,
    place       int    not null,
    started_at  timestamptz not null,
    author_id   uuid   not null,
    contact     text   not null,
    hand_ms     bigint not null,
    primary key (practice_id, visit_id, place),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id) on delete cascade
);
create index step_use_of_a_hand on step_use (practice_id, author_id, started_at);
alter table step_use enable row level security;
alter table step_use force row level security;
create policy of_practice on step_use
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on step_use from public;
grant select, insert, delete on step_use to mokren_app;

-- +goose Down
drop table step_use;
