-- +goose Up
-- A practice's own likelihood ratios, over the shipped ones.
create table evidence_weight (
    practice_id uuid not null references practice (id),
    evidence    text not null,
    plus        double precision not null check (plus between 1 and 50),
    minus       double precision not null check (minus between 0.05 and 1),
    person_id   uuid not null,
    updated_at  timestamptz not null default now(),
    primary key (practice_id, evidence),
    foreign key (practice_id, person_id) references person (practice_id, id)
);
alter table evidence_weight enable row level security;
alter table evidence_weight force row level security;
create policy of_practice on evidence_weight
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on evidence_weight from public;
grant select, insert, update, delete on evidence_weight to mokren_app;

-- +goose Down
drop table evidence_weight;
