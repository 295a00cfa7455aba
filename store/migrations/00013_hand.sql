-- +goose Up
-- A client's pad during a hold: what it says is kept as it comes, and becomes
-- part of the hold whose time it falls into, whenever that arrives.
alter table link drop constraint link_purpose_check;
alter table link add constraint link_purpose_check check (purpose in ('intake', 'hand'));

create table pad_word (
    practice_id uuid        not null,
    id          uuid        not null,
    client_id   uuid        not null,
    visit_id    uuid        not null,
    device      uuid        not null,
    seq         bigint      not null check (seq > 0),
    at          timestamptz not null,
    kind        text        not null check (kind in ('score', 'client-stop')),
    value       jsonb,
    taken       boolean     not null default false,
    primary key (practice_id, id),
    unique (practice_id, visit_id, device, seq),
    foreign key (practice_id, client_id, visit_id) references visit (practice_id, client_id, id)
);
create index pad_word_waiting on pad_word (practice_id, visit_id) where not taken;
alter table pad_word enable row level security;
alter table pad_word force row level security;
create policy of_practice on pad_word
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on pad_word from public;
grant select, insert, update on pad_word to mokren_app;

-- +goose StatementBegin
create function link_end(of_practice uuid, of_visit uuid, of_purpose text)
    returns void
    language plpgsql security definer set search_path = public
as $$ begin
    if of_practice is distinct from nullif(current_setting('mokren.practice', true), '')::uuid then
        raise exception 'a link is ended only within its own practice';
    end if;
    delete from link where practice_id = of_practice and visit_id = of_visit and purpose = of_purpose;
end $$;
-- +goose StatementEnd
revoke all on function link_end(uuid, uuid, text) from public;
grant execute on function link_end(uuid, uuid, text) to mokren_app;

-- +goose Down
drop function link_end(uuid, uuid, text);
drop table pad_word;
delete from link where purpose = 'hand';
alter table link drop constraint link_purpose_check;
alter table link add constraint link_purpose_check check (purpose in ('intake'));
