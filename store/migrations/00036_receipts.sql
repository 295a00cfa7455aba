-- A practice's price list, and receipts numbered without gaps. A receipt is never changed: it is
-- taken back by a counter-receipt. When the record of a client is erased, number, day and sums stay.
-- +goose Up
create table price_list (
    practice_id uuid primary key references practice (id),
    body        jsonb not null,
    revision    bigint not null check (revision > 0)
);
create table receipt (
    practice_id uuid not null references practice (id),
    number      int  not null check (number > 0),
    id          uuid not null,
    issued_at   timestamptz not null,
    person_id   uuid not null,
    -- Named otherwise than where erasing deletes: of these only the sums are kept.
    of_client   uuid,
    of_visit    uuid,
    name        text not null default '',
    day         date not null,
    sums        jsonb not null,
    cancels     int,
    primary key (practice_id, number),
    unique (practice_id, id),
    unique (practice_id, cancels),
    foreign key (practice_id, person_id) references person (practice_id, id),
    foreign key (practice_id, cancels) references receipt (practice_id, number),
    check (cancels is null or cancels < number)
);
create index receipt_of_visit on receipt (practice_id, of_visit);
-- +goose StatementBegin
do $$
declare t text;
begin
    foreach t in array array['price_list', 'receipt'] loop
        execute format('alter table %I enable row level security', t);
        execute format('alter table %I force row level security', t);
        execute format('create policy of_practice on %I
            using (practice_id = nullif(current_setting(''mokren.practice'', true), '''')::uuid)
            with check (practice_id = nullif(current_setting(''mokren.practice'', true), '''')::uuid)', t);
        execute format('revoke all on %I from public', t);
    end loop;
end $$;
-- +goose StatementEnd
grant select, insert, update on price_list to mokren_app;
grant select, insert on receipt to mokren_app;

-- The numbers of a practice follow each other, whoever writes at the same time: its row is held.
-- +goose StatementBegin
create function receipt_number() returns trigger
    language plpgsql security definer set search_path = public
as $$
begin
    perform from practice where id = here() for update;
    select coalesce(max(number), 0) + 1 into new.number from receipt where practice_id = here();
    return new;
end $$;
-- +goose StatementEnd
create trigger receipt_number before insert on receipt for each row execute function receipt_number();

-- +goose StatementBegin
create function receipt_of_erased() returns trigger
    language plpgsql security definer set search_path = public
as $$
begin
    update receipt set of_client = null, of_visit = null, name = '', sums = jsonb_set(sums, '{lines}', '[]')
        where practice_id = old.practice_id and of_client = old.id;
    return old;
end $$;
-- +goose StatementEnd
create trigger receipt_of_erased before delete on client for each row execute function receipt_of_erased();
revoke all on function receipt_number(), receipt_of_erased() from public;

-- +goose Down
drop trigger receipt_of_erased on client;
drop table receipt;
drop table price_list;
drop function receipt_number();
drop function receipt_of_erased();
