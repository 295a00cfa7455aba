-- +goose Up
-- The present state of each visit's consents: the latest word on each area.
create table consent (
    practice_id uuid    not null,
    client_id   uuid    not null,
    visit_id    uuid    not null,
    area        text    not null,
    given       boolean not null,
    given_by    text    not null,
    chaperone   text    not null,
    note        text    not null,
    primary key (practice_id, visit_id, area),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
create index consent_by_client on consent (practice_id, client_id);

-- A practice's own thresholds of posture flags, over the shipped ones.
create table posture_threshold (
    practice_id uuid not null references practice (id),
    threshold   text not null,
    value       double precision not null,
    person_id   uuid not null,
    updated_at  timestamptz not null default now(),
    primary key (practice_id, threshold),
    foreign key (practice_id, person_id) references person (practice_id, id)
);

alter table consent enable row level security;
alter table consent force row level security;
create policy of_practice on consent
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
alter table posture_threshold enable row level security;
alter table posture_threshold force row level security;
create policy of_practice on posture_threshold
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on consent, posture_threshold from public;
grant select, insert, delete on consent to mokren_app;
grant select, insert, update, delete on posture_threshold to mokren_app;

-- A link opens the whole intake: drawing, story and answers.
alter table link drop constraint link_purpose_check;
update link set purpose = 'intake';
alter table link add constraint link_purpose_check check (purpose in ('intake'));
alter table client_entry drop constraint client_entry_kind_check;
alter table client_entry add constraint client_entry_kind_check check (kind in ('drawing', 'story', 'answers'));

-- +goose Down
drop table consent, posture_threshold;
delete from client_entry where kind <> 'drawing';
alter table client_entry drop constraint client_entry_kind_check;
alter table client_entry add constraint client_entry_kind_check check (kind in ('drawing'));
alter table link drop constraint link_purpose_check;
update link set purpose = 'drawing';
alter table link add constraint link_purpose_check check (purpose in ('drawing'));
