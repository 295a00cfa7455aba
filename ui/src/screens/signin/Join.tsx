// A one-time link: who joins, or comes back, chooses a password; the first start sets
// up the practice.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, must } from "../../api/client";
import { Button, ErrorPanel, Waiting } from "../../parts/controls";
import { useTry } from "../../parts/useTry";
import { SignInPage } from "./SignInPage";
import { missingOf, NewPassword, nothingChosen } from "./NewPassword";
import { SetUp } from "./SetUp";

export default function Join() {
  const { code = "" } = useParams();
  const link = useQuery({
    queryKey: ["link", code],
    queryFn: () => must(api.GET("/api/join/{code}", { params: { path: { code } } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [chosen, setChosen] = useState(nothingChosen);
  const { error, fields, busy, run, complete } = useTry();
  if (link.isPending) return <Waiting>Looking up the link…</Waiting>;
  if (link.error) return <SignInPage said={link.error.message} />;
  const { kind, practice, name, email } = link.data;
  if (kind === "set-up") return <SetUp code={code} />;
  const submit = () => {
    if (!complete(missingOf(chosen))) return;
    void run(async () => {
      await must(
        api.POST("/api/join/{code}", { params: { path: { code } }, body: { password: chosen.first } }),
      );
      location.assign("/");
    });
  };
  const said =
    kind === "join"
      ? `${name}, ${practice} asks you to join. You sign in as ${email}.`
      : `${name}, choose a new password for ${email}. Other devices are signed out, and a second factor is switched off.`;
  return (
    <SignInPage said={said} onSubmit={submit}>
      <NewPassword chosen={chosen} onChange={setChosen} fields={fields} />
      {error?.message && !fields.password && <ErrorPanel error={error} />}
      <Button type="submit" $kind="main" isDisabled={busy} $large>
        {kind === "join" ? "Join" : "Take this password"}
      </Button>
    </SignInPage>
  );
}
