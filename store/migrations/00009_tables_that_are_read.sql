-- +goose Up
-- The tables of a visit are its log's present state, for what is read across
-- visits: the client's course, and what a visit needs of earlier ones
-- (decisions/15). What nobody reads goes; the log has it all.
--
-- tables_of tells by which reading of the log a visit's tables were written;
-- where it is an older one they are written anew when they are next read.
-- tables_sum holds a checksum of each table's rows, so that only what differs
-- is written.
alter table visit
    add column tables_of  int   not null default 0,
    add column tables_sum jsonb not null default '{}',
    add column interview  jsonb,
    add column ranges     jsonb,
    add column gauges     jsonb,
    add constraint visit_start unique (practice_id, client_id, id, starts_at);

truncate charted_point;
alter table charted_point
    drop column figure, drop column fibre, drop column along_pct, drop column across_mm,
    add column place       int    not null,
    add column after_grade int,
    add column charted_ms  bigint not null,
    add column charted     jsonb  not null,
    add column starts_at   timestamptz not null,
    add constraint charted_point_start foreign key (practice_id, client_id, visit_id, starts_at)
        references visit (practice_id, client_id, id, starts_at) on update cascade;
drop index charted_point_by_identity;
create index charted_point_latest
    on charted_point (practice_id, client_id, identity, starts_at desc, place, visit_id, id);

truncate hold;
alter table hold drop column protocol, drop column rules_version, drop column why, drop column overrun_ms,
    drop column summary;
alter table hold add column place int not null default 0;
create index hold_by_client on hold (practice_id, client_id);

truncate consent;
alter table consent add column place int not null;

truncate range_reading;
alter table range_reading
    add column place int not null;
create index range_reading_by_client on range_reading (practice_id, client_id);

truncate pain_drawing;
alter table pain_drawing drop column figure, drop column cells, add column place int not null default 0;
create index pain_drawing_by_client on pain_drawing (practice_id, client_id);

-- The latest answer to each question is found without reading all the others.
alter table screening no force row level security;
alter table visit no force row level security;
alter table screening add column starts_at timestamptz;
update screening s set starts_at = v.starts_at
    from visit v where v.practice_id = s.practice_id and v.id = s.visit_id;
alter table screening force row level security;
alter table visit force row level security;
alter table screening
    alter column starts_at set not null,
    add constraint screening_start foreign key (practice_id, client_id, visit_id, starts_at)
        references visit (practice_id, client_id, id, starts_at) on update cascade;
drop index screening_by_client;
create index screening_latest on screening (practice_id, client_id, question, starts_at, visit_id, place)
    where answered_by = 'therapist' and answer <> 'cleared';
create index screening_by_question on screening (practice_id, client_id, question, starts_at, visit_id, place);
create index screening_lasting on screening (practice_id, client_id, question)
    where answer in ('yes', 'cleared');

-- +goose Down
drop index screening_lasting, screening_by_question, screening_latest;
create index screening_by_client on screening (practice_id, client_id);
alter table screening drop column starts_at;
drop index pain_drawing_by_client, range_reading_by_client, hold_by_client;
truncate pain_drawing;
alter table pain_drawing drop column place, add column figure text not null, add column cells int not null;
alter table consent drop column place;
truncate consent;
alter table consent add column place int not null;

truncate range_reading;
alter table range_reading drop column place;
truncate hold;
alter table hold drop column place, add column protocol text not null, add column rules_version text not null,
    add column why text not null default '', add column overrun_ms bigint not null, add column summary jsonb not null;
truncate charted_point;
drop index charted_point_latest;
create index charted_point_by_identity on charted_point (practice_id, client_id, identity);
alter table charted_point drop column starts_at, drop column place, drop column after_grade, drop column charted_ms, drop column charted,
    add column figure text not null, add column fibre int not null, add column along_pct double precision not null,
    add column across_mm double precision not null;
alter table visit drop constraint visit_start, drop column tables_of, drop column tables_sum, drop column interview, drop column ranges, drop column gauges;
