-- What every request asks is answered in one question: the role of who acts, as it is now.
-- +goose Up
-- +goose StatementBegin
create function role_now(practice uuid, who uuid) returns text
    language plpgsql
    set search_path = public
as $$
begin
    -- As entering the practice does (store.begin); it ends with the statement's own transaction.
    perform set_config('mokren.practice', practice::text, true), set_config('mokren.person', who::text, true);
    return (select role from person where id = who and left_at is null);
end $$;
-- +goose StatementEnd
revoke all on function role_now(uuid, uuid) from public;
grant execute on function role_now(uuid, uuid) to mokren_app;

-- +goose Down
drop function role_now(uuid, uuid);
