import { Suspense } from "react";
import { I18nProvider } from "react-aria-components";
import { Route, Routes, useLocation } from "react-router";
import type { Schemas } from "./api/client";
import { Trouble, Waiting } from "./parts/controls";
import { Shell } from "./parts/Shell";
import { WrittenContext } from "./parts/written";
import { ClientPage } from "./screens/client/ClientPage";
import { Clients } from "./screens/clients/Clients";
import { Day } from "./screens/Day";
import {
  After,
  Atlas,
  Audit,
  Diary,
  Guide,
  Hand,
  Hold,
  Join,
  Overview,
  Own,
  Pad,
  People,
  PhotoRoom,
  Practice,
  Show,
  Spine,
  ToPrint,
  Visit,
} from "./screens/screens";
import { SignIn } from "./screens/door/SignIn";
import { useSession } from "./session";

export function App() {
  // A client's own device needs no sign-in.
  const own = /^\/(draw|hand|after|join)(\/|$)/.test(useLocation().pathname);
  return (
    <I18nProvider locale="en-GB">
      <Suspense fallback={<Waiting>Opening…</Waiting>}>
        {own ? (
          <Routes>
            <Route path="/draw/:code?" element={<Pad />} />
            <Route path="/hand/:code?" element={<Hand />} />
            <Route path="/after/:code?" element={<After />} />
            <Route path="/join/:code" element={<Join />} />
          </Routes>
        ) : (
          <SignedIn />
        )}
      </Suspense>
    </I18nProvider>
  );
}

function SignedIn() {
  const { me, signedIn, signOut } = useSession();
  if (me.signedOut) return <SignIn onDone={signedIn} />;
  if (me.data)
    return (
      <WrittenContext value={me.data}>
        <Screens me={me.data} onSignOut={signOut} />
      </WrittenContext>
    );
  return me.error ? <Trouble error={me.error} onRetry={me.retry} /> : <Waiting>Opening…</Waiting>;
}

/** Table screens fill the whole display; desk screens stand in the shell. */
function Screens({ me, onSignOut }: { me: Schemas["Me"]; onSignOut: () => void }) {
  return (
    <Routes>
      <Route path="/visits/:id/hold/:hold" element={<Hold me={me} />} />
      <Route path="/visits/:id/aftercare" element={<ToPrint me={me} />} />
      <Route path="/visits/:id/show" element={<Show me={me} />} />
      <Route path="/guide/:muscle/:side" element={<Guide me={me} />} />
      <Route element={<Shell me={me} onSignOut={onSignOut} />}>
        <Route path="/visits/:id/photo/:photo" element={<PhotoRoom me={me} />} />
        <Route path="/visits/:id/*" element={<Visit me={me} />} />
        <Route path="/atlas/:muscle?" element={<Atlas />} />
        <Route path="/spine" element={<Spine me={me} />} />
        <Route path="/week/:from?" element={<Diary me={me} />} />
        {me.role !== "front-desk" && <Route path="/overview" element={<Overview me={me} />} />}
        <Route path="/clients" element={<Clients me={me} />} />
        <Route path="/clients/:id/:tab?" element={<ClientPage me={me} />} />
        <Route path="/own" element={<Own me={me} />} />
        {me.role === "owner" && <Route path="/practice/people" element={<People me={me} />} />}
        {me.role === "owner" && <Route path="/practice/audit" element={<Audit me={me} />} />}
        {me.role === "owner" && <Route path="/practice" element={<Practice me={me} />} />}
        <Route path="*" element={<Day me={me} />} />
      </Route>
    </Routes>
  );
}
