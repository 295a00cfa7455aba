-- An attempt to sign in is counted before its password is looked at, so that many at
-- once are not all let through; one that was right is taken off again.
-- +goose Up
-- +goose StatementBegin
create function login_attempt(of_email text, forget_s int) returns int
    language sql security definer set search_path = public
as $$ update login set failed = case when failed_at < now() - forget_s * interval '1 second' then 1 else failed + 1 end,
        failed_at = now()
    where email = lower(of_email) returning failed $$;
-- +goose StatementEnd
-- +goose StatementBegin
create function login_half(of_email text) returns void
    language sql security definer set search_path = public
as $$ update login set failed = greatest(failed - 1, 0) where email = lower(of_email) $$;
-- +goose StatementEnd
revoke all on function login_attempt(text, int), login_half(text) from public;
grant execute on function login_attempt(text, int), login_half(text) to mokren_app;

-- +goose Down
drop function login_half(text), login_attempt(text, int);
