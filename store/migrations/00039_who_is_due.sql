-- Who is due is the answer of a client's latest closed visit. It stands by itself, in the order of
-- the list: looking through the visits of a year took thirty times as long among ten thousand
-- clients as among a hundred. It follows the visits by a trigger, so nothing else writes it, no
-- archive has it, and it is gone with the client.
-- +goose Up
create table client_due (
    practice_id uuid not null,
    client_id   uuid not null,
    visit_id    uuid not null,
    starts_at   timestamptz not null,
    next_from   date not null,
    next_to     date not null,
    primary key (practice_id, client_id),
    foreign key (practice_id, client_id) references client (practice_id, id) on delete cascade
);
create index client_due_by_time on client_due (practice_id, next_to);
alter table client_due enable row level security;
alter table client_due force row level security;
create policy of_practice on client_due
    using (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid)
    with check (practice_id = nullif(current_setting('mokren.practice', true), '')::uuid);
revoke all on client_due from public;
grant select on client_due to mokren_app;

-- +goose StatementBegin
create function client_due_again() returns trigger
    language plpgsql security definer set search_path = public
as $$
declare
    v visit := coalesce(new, old);
    within text := coalesce(current_setting('mokren.practice', true), '');
begin
    -- Whoever keeps the database changes visits of every practice; the rows are of the visit's own.
    perform set_config('mokren.practice', v.practice_id::text, true);
    delete from client_due where practice_id = v.practice_id and client_id = v.client_id;
    insert into client_due select l.practice_id, l.client_id, l.id, l.starts_at, l.next_from, l.next_to
        from (select * from visit l where l.practice_id = v.practice_id and l.client_id = v.client_id
                and l.closed_at is not null order by l.starts_at desc, l.id desc limit 1) l
        where l.next_from is not null;
    perform set_config('mokren.practice', within, true);
    return null;
end $$;
-- +goose StatementEnd
revoke all on function client_due_again() from public;
create trigger client_due_added after insert on visit for each row
    when (new.closed_at is not null) execute function client_due_again();
create trigger client_due_changed after update on visit for each row
    when ((old.closed_at is not null or new.closed_at is not null)
        and (old.closed_at is null, old.starts_at, old.next_from, old.next_to)
            is distinct from (new.closed_at is null, new.starts_at, new.next_from, new.next_to))
    execute function client_due_again();
create trigger client_due_gone after delete on visit for each row
    when (old.closed_at is not null) execute function client_due_again();

alter table visit no force row level security;
alter table client_due no force row level security;
insert into client_due select practice_id, client_id, id, starts_at, next_from, next_to from (
        select distinct on (practice_id, client_id) * from visit where closed_at is not null
        order by practice_id, client_id, starts_at desc, id desc) l
    where next_from is not null;
alter table client_due force row level security;
alter table visit force row level security;

-- +goose Down
drop trigger client_due_added on visit;
drop trigger client_due_changed on visit;
drop trigger client_due_gone on visit;
drop function client_due_again();
drop table client_due;
