-- +goose Up
-- Posture photographs, re-encoded on entry so that no metadata is left, with a
-- thumbnail and what was marked on them. A removed one can be brought back.
create table photo (
    practice_id uuid        not null,
    id          uuid        not null,
    client_id   uuid        not null,
    visit_id    uuid        not null,
    view        text        not null check (view in ('front', 'back', 'left', 'right')),
    width       int         not null,
    height      int         not null,
    jpeg        bytea       not null,
    thumb       bytea       not null,
    marks       jsonb       not null default '{}',
    revision    bigint      not null default 1,
    person_id   uuid        not null,
    added_at    timestamptz not null default now(),
    removed_at  timestamptz,
    primary key (practice_id, id),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id),
    foreign key (practice_id, person_id) references person (practice_id, id)
);
create index photo_by_client on photo (practice_id, client_id);
alter table photo enable row level security;
alter table photo force row level security;
create policy of_practice on photo
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on photo from public;
grant select, insert, update on photo to mokren_app;

-- +goose Down
drop table photo;
