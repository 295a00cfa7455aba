// The first start: the practice, and who owns it.
import { useState } from "react";
import { api, must } from "../../api/client";
import { Button, Search, Text, ErrorPanel } from "../../parts/controls";
import { useTry } from "../../parts/useTry";
import { SignInPage } from "./SignInPage";
import { missingOf, NewPassword, nothingChosen } from "./NewPassword";

const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
// Where one is may be none of those that are listed.
const zones = [...new Set([here, ...Intl.supportedValuesOf("timeZone")])];

export function SetUp({ code }: { code: string }) {
  const [given, setGiven] = useState({
    practice: "",
    time_zone: here,
    name: "",
    email: "",
  });
  const [chosen, setChosen] = useState(nothingChosen);
  const { error, fields, busy, run, complete } = useTry();
  const set = (over: Partial<typeof given>) => setGiven({ ...given, ...over });
  const submit = () => {
    const missing = {
      practice: !given.practice.trim() && "What your practice is called",
      name: !given.name.trim() && "Your name",
      email: !given.email.includes("@") && "An e-mail address, such as you@practice.example",
      ...missingOf(chosen),
    };
    if (!complete(missing)) return;
    void run(async () => {
      const body = { ...given, email: given.email.trim(), password: chosen.first };
      await must(api.POST("/api/set-up/{code}", { params: { path: { code } }, body }));
      location.assign("/practice/people");
    });
  };
  return (
    <SignInPage
      said="Set up your practice. You are its owner; others are asked to join after."
      onSubmit={submit}
    >
      <Text
        label="Practice"
        name="practice"
        value={given.practice}
        onChange={(practice) => set({ practice })}
        error={fields.practice}
        autoFocus
      />
      <Search
        label="Time zone"
        value={given.time_zone}
        options={zones}
        describe={(z) => z.replaceAll("_", " ")}
        none="such as Europe/Vienna"
        onPick={(z) => z && set({ time_zone: z })}
      />
      <Text
        label="Your name"
        name="name"
        autoComplete="name"
        value={given.name}
        onChange={(name) => set({ name })}
        error={fields.name}
      />
      <Text
        label="E-mail, to sign in by"
        type="email"
        name="email"
        autoComplete="username"
        value={given.email}
        onChange={(email) => set({ email })}
        error={fields.email}
      />
      <NewPassword chosen={chosen} onChange={setChosen} fields={fields} />
      {error?.message && Object.keys(fields).length === 0 && <ErrorPanel error={error} />}
      <Button type="submit" $kind="main" isDisabled={busy} $large>
        Begin
      </Button>
    </SignInPage>
  );
}
