-- The secret of a second factor that was kept as it is, before the server had a key, is
-- sealed when its owner next signs in.
-- +goose Up
-- +goose StatementBegin
create function login_seal(of_person uuid, sealed text) returns void
    language sql security definer set search_path = public
as $$ update login set totp_secret = sealed where practice_id = here() and person_id = of_person $$;
-- +goose StatementEnd
revoke all on function login_seal(uuid, text) from public;
grant execute on function login_seal(uuid, text) to mokren_app;

-- +goose Down
drop function login_seal(uuid, text);
