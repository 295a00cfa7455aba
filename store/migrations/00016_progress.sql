-- +goose Up
-- What a client's course and the practice's view read across visits.
alter table charted_point add column ppt_kpa double precision;
alter table hold add column protocol text not null default '';
alter table range_reading add column pain numeric(3, 1);
alter table pain_drawing add column area_cm2 double precision;
alter table visit
    add column signed_at  timestamptz,
    add column signed_by  uuid,
    add column next_from  date,
    add column next_to    date;
create index visit_unsigned on visit (practice_id, closed_at) where closed_at is not null and signed_at is null;

-- What the list said of a muscle when the visit was closed, and whether a trigger
-- point was found there: the list is held to its word.
create table suspicion (
    practice_id uuid   not null,
    client_id   uuid   not null,
    visit_id    uuid   not null,
    place       int    not null,
    muscle      text   not null,
    side        text   not null check (side in ('left', 'right')),
    region      text   not null,
    confidence  double precision not null check (confidence between 0 and 1),
    found       boolean not null,
    findings    text[] not null default '{}',
    primary key (practice_id, visit_id, muscle, side),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
alter table suspicion enable row level security;
alter table suspicion force row level security;
create policy of_practice on suspicion
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on suspicion from public;
grant select, insert, update, delete on suspicion to mokren_app;

-- How a practice writes lengths, times and weeks; the record stays metric.
alter table practice
    add column units       text not null default 'metric' check (units in ('metric', 'imperial')),
    add column clock_hours int  not null default 24 check (clock_hours in (12, 24)),
    add column week_starts int  not null default 1 check (week_starts in (0, 1, 6));

-- +goose Down
alter table practice drop column units, drop column clock_hours, drop column week_starts;
drop table suspicion;
drop index visit_unsigned;
alter table visit drop column signed_at, drop column signed_by, drop column next_from, drop column next_to;
alter table pain_drawing drop column area_cm2;
alter table range_reading drop column pain;
alter table hold drop column protocol;
alter table charted_point drop column ppt_kpa;
