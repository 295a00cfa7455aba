-- The practice bench: what learners did with simulated clients, and what teachers set them. Nothing
-- here is a client's: no key leads to a client or a visit, but for pairs of values of two visits,
-- which go when either of them goes. A learner sees only their own results, a supervisor those of
-- their students, an owner all: row security says so.
-- +goose Up
create table bench_assignment (
    practice_id uuid not null references practice (id),
    id          uuid not null,
    made_by     uuid not null,
    made_at     timestamptz not null,
    title       text not null check (title <> ''),
    items       jsonb not null,
    coach       text not null check (coach in ('speaks', 'silent', 'exam')),
    due_on      date not null,
    exam        boolean not null,
    -- Never given to anybody while the assignment is open.
    seed        bigint not null,
    closed_at   timestamptz,
    primary key (practice_id, id),
    foreign key (practice_id, made_by) references person (practice_id, id)
);
create table bench_result (
    practice_id   uuid not null references practice (id),
    id            uuid not null,
    person_id     uuid not null,
    began_at      timestamptz not null,
    finished_at   timestamptz,
    exercise      text not null,
    level         int not null check (level between 1 and 3),
    input         jsonb not null,
    coach         text not null check (coach in ('speaks', 'silent', 'exam')),
    outcome       jsonb,
    assignment_id uuid,
    item          int,
    primary key (practice_id, id),
    foreign key (practice_id, person_id) references person (practice_id, id),
    foreign key (practice_id, assignment_id) references bench_assignment (practice_id, id)
);
create index bench_result_of on bench_result (practice_id, person_id, began_at);
create unique index bench_sat_once on bench_result (practice_id, assignment_id, item, person_id)
    where coach = 'exam' and assignment_id is not null;
create table bench_pairs (
    practice_id  uuid not null references practice (id),
    id           uuid not null,
    made_at      timestamptz not null,
    first_person  uuid not null,
    second_person uuid not null,
    -- Of these only that they are there still: no column of a client.
    first_visit  uuid not null,
    second_visit uuid not null,
    pairs        jsonb not null,
    primary key (practice_id, id),
    foreign key (practice_id, first_visit) references visit (practice_id, id) on delete cascade,
    foreign key (practice_id, second_visit) references visit (practice_id, id) on delete cascade
);
-- +goose StatementBegin
do $$
declare t text;
begin
    foreach t in array array['bench_assignment', 'bench_result', 'bench_pairs'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format('revoke all on %I from public', t);
    end loop;
    foreach t in array array['bench_assignment', 'bench_pairs'] loop
        execute format('create policy of_practice on %I
            using (practice_id = nullif(current_setting(''mokren.practice'', true), '''')::uuid)
            with check (practice_id = nullif(current_setting(''mokren.practice'', true), '''')::uuid)', t);
    end loop;
end $$;
-- +goose StatementEnd
create policy of_learner on bench_result
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid and (
        person_id = nullif(current_setting('mokren.person', true), '')::uuid
        or current_setting('mokren.role', true) = 'owner'
        or exists (select from person p where p.practice_id = bench_result.practice_id and p.id = bench_result.person_id
            and p.supervisor_id = nullif(current_setting('mokren.person', true), '')::uuid)))
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid
        and person_id = nullif(current_setting('mokren.person', true), '')::uuid);
grant select, insert on bench_assignment, bench_pairs to mokren_app;
grant update (closed_at) on bench_assignment to mokren_app;
grant select, insert on bench_result to mokren_app;
grant update (input, outcome, finished_at) on bench_result to mokren_app;

-- +goose Down
drop table bench_pairs;
drop table bench_result;
drop table bench_assignment;
