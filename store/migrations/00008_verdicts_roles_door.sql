-- +goose Up
-- An event is judged once, when it arrives, and its verdict is kept with it
-- (decisions/13). happened_ms is the device's time corrected on arrival.
alter table visit_event
    add column happened_ms bigint not null default 0,
    add column clock       text   not null default '' check (clock in ('', 'ahead', 'behind', 'long')),
    add column hold_at_ms  bigint,
    add column verdict     text   not null default 'accepted' check (verdict in ('accepted', 'aside')),
    add column why         text   not null default '',
    add column result      jsonb;
alter table visit add column created_at timestamptz not null default now();

-- Row security is lifted for the owner while old rows are brought over.
alter table visit_event no force row level security;
alter table hold no force row level security;
alter table person no force row level security;
alter table screening no force row level security;

-- What was known of old holds is their verdict. A claim that differed is a
-- remark now, not a reason to set the hold aside.
update visit_event e set verdict = 'aside', why = h.why
    from hold h
    where e.type = 'hold-started' and h.practice_id = e.practice_id and h.visit_id = e.visit_id
        and h.id::text = e.body ->> 'hold' and h.status = 'aside' and h.why not like 'The log replays to%';
update visit_event e set result = h.summary
    from hold h
    where e.type = 'hold-ended' and h.practice_id = e.practice_id and h.visit_id = e.visit_id
        and h.id::text = e.body ->> 'hold';

-- Roles (core/rights). An assistant could do what the table now says in words;
-- the one with the fewest rights is the safe reading.
alter table person drop constraint person_role_check;
update person set role = 'front-desk' where role = 'assistant';
alter table person add constraint person_role_check check (role in ('owner', 'therapist', 'student', 'front-desk'));

-- Whose word an answer is, and whether it was cleared.
alter table screening
    add column answered_by text    not null default 'therapist' check (answered_by in ('therapist', 'client')),
    add column cleared     boolean not null default false;
update screening s set cleared = true
    where s.answer <> 'cleared' and exists (
        select from screening c where c.practice_id = s.practice_id and c.visit_id = s.visit_id
            and c.question = s.question and c.answer = 'cleared');

alter table visit_event force row level security;
alter table hold force row level security;
alter table person force row level security;
alter table screening force row level security;

-- Signs during a hold, with where the hand was: they close places for the
-- client and the day, in every visit of that day.
create table hold_sign (
    practice_id uuid   not null,
    client_id   uuid   not null,
    visit_id    uuid   not null,
    place       int    not null,
    hold_id     uuid   not null,
    sign        text   not null check (sign in ('nerve-sign', 'pulse', 'unwell', 'skin-reaction')),
    at          timestamptz not null,
    spot        jsonb  not null,
    primary key (practice_id, visit_id, place),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
create index hold_sign_by_client on hold_sign (practice_id, client_id, at);
alter table hold_sign enable row level security;
alter table hold_sign force row level security;
create policy of_practice on hold_sign
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on hold_sign from public;
grant select, insert, delete on hold_sign to mokren_app;

-- How long a tablet may keep a copy of a visit for opening it without a
-- connection; 0 is not at all.
alter table practice add column copy_hours int not null default 24 check (copy_hours between 0 and 168);
grant update (copy_hours) on practice to mokren_app;

-- The audit says what was refused, too.
alter table audit add column outcome text not null default 'done' check (outcome in ('done', 'refused'));

-- What happens at the door before a practice is known: an unknown e-mail, a
-- wrong code. No health data; written through the function only.
create table door (
    id      bigint      generated always as identity primary key,
    at      timestamptz not null default now(),
    what    text        not null check (what in ('sign-in', 'code')),
    address text        not null
);
-- +goose StatementBegin
create function door_note(new_what text, new_address text) returns void
    language sql security definer set search_path = public
as $$ insert into door (what, address) values (new_what, new_address) $$;
-- +goose StatementEnd
revoke all on door from public;
revoke all on function door_note(text, text) from public;
grant execute on function door_note(text, text) to mokren_app;

-- A session is found by a hash of its token; who reads the table has no token.
-- Everyone signs in again.
delete from session;
alter table session alter column token type bytea using decode(token, 'escape');

-- The code that an entry came with: each may bring so many.
alter table client_entry add column code_hash bytea;

-- The program looks whether the schema is the one it knows, as the app role.
grant select on goose_db_version to mokren_app;

-- +goose Down
revoke select on goose_db_version from mokren_app;
alter table client_entry drop column code_hash;
delete from session;
alter table session alter column token type text using encode(token, 'hex');
drop function door_note(text, text);
drop table door, hold_sign;
alter table audit drop column outcome;
alter table practice drop column copy_hours;
alter table screening drop column answered_by, drop column cleared;
alter table person no force row level security;
alter table person drop constraint person_role_check;
update person set role = case when role in ('owner', 'therapist') then 'therapist' else 'assistant' end;
alter table person add constraint person_role_check check (role in ('therapist', 'assistant'));
alter table person force row level security;
alter table visit drop column created_at;
alter table visit_event drop column happened_ms, drop column clock, drop column hold_at_ms, drop column verdict,
    drop column why, drop column result;
