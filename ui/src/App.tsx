import { type ComponentType, Suspense } from "react";
import { Route, Routes, useLocation } from "react-router";
import type { Schemas } from "./api/client";
import { Failed, ErrorPanel, Waiting } from "./parts/controls";
import { Shell } from "./parts/Shell";
import { UnitPreferencesContext } from "./parts/unitPreferences";
import { ofClients, type PageRoute, routeOf, routes, routesOf } from "./routes";
import { lazily } from "./screens/lazily";
import { screens } from "./screens/screens";
import { useSession } from "./session";

/** Who was signed in and is not any more. */
const SignIn = lazily(() => import("./screens/signin/SignIn"));

function element({ screen }: PageRoute, me: Schemas["Me"]) {
  const Shown = screens[screen];
  return Shown && <Shown me={me} />;
}

/** A client's own device needs no sign-in. */
function OfClients() {
  return (
    <Routes>
      {routes.filter(ofClients).map((r) => {
        const Shown = screens[r.screen] as unknown as ComponentType;
        return <Route key={r.path} path={r.path} element={<Shown />} />;
      })}
    </Routes>
  );
}

export function App() {
  const here = routeOf(useLocation().pathname);
  return (
    <Suspense fallback={<Waiting>Opening…</Waiting>}>
      {here && ofClients(here) ? <OfClients /> : <SignedIn />}
    </Suspense>
  );
}

function SignedIn() {
  const { me, signedIn, signOut } = useSession();
  if (me.signedOut) return <SignIn onDone={signedIn} />;
  if (me.data)
    return (
      <UnitPreferencesContext value={me.data}>
        <Screens me={me.data} onSignOut={signOut} />
      </UnitPreferencesContext>
    );
  return me.error ? <ErrorPanel error={me.error} onRetry={me.retry} /> : <Waiting>Opening…</Waiting>;
}

/** Table screens fill the whole display; desk screens stand in the shell. */
function Screens({ me, onSignOut }: { me: Schemas["Me"]; onSignOut: () => void }) {
  const all = routesOf(me);
  const alone = all.filter((r) => r.frame === "none");
  const framed = all.filter((r) => !r.frame);
  return (
    <Routes>
      {alone.map((r) => (
        <Route key={r.path} path={r.path} element={element(r, me)} />
      ))}
      <Route element={<Shell me={me} onSignOut={onSignOut} />}>
        {framed.map((r) => (
          <Route key={r.path} path={r.path} element={element(r, me)} />
        ))}
        <Route path="*" element={<Elsewhere me={me} />} />
      </Route>
    </Routes>
  );
}

/** A page that there is, and that the role may not see, says so; any other address is the
 * day. */
function Elsewhere({ me }: { me: Schemas["Me"] }) {
  const there = routeOf(useLocation().pathname);
  const { Day } = screens;
  if (there) return <Failed error={new Error("Your role does not allow this.")} />;
  return Day && <Day me={me} />;
}
