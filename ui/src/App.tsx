import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect } from "react";
import { Route, Routes, useLocation } from "react-router";
import { api, must, Problem } from "./api/client";
import { serverSaid } from "./core/clock";
import { forgetCopies, tidyCopies } from "./core/copies";
import { outbox } from "./core/outbox";
import { Trouble, Waiting } from "./parts/controls";
import { Shell } from "./parts/Shell";
import { ClientPage } from "./screens/ClientPage";
import { Clients } from "./screens/Clients";
import { Day } from "./screens/Day";
import { SignIn } from "./screens/SignIn";

const Visit = lazy(() => import("./screens/visit/Visit"));
const Atlas = lazy(() => import("./screens/atlas/Atlas"));
const Guide = lazy(() => import("./screens/atlas/Guide"));
const Spine = lazy(() => import("./screens/Spine"));
const Pad = lazy(() => import("./screens/Pad"));
const PhotoRoom = lazy(() => import("./screens/visit/Photos"));
const Show = lazy(() => import("./screens/visit/Show"));
const Practice = lazy(() => import("./screens/practice/Practice"));
const Hold = lazy(() => import("./screens/hold/Hold"));

export function App() {
  // A client's own device needs no sign-in.
  if (useLocation().pathname.startsWith("/draw")) {
    return (
      <Suspense fallback={<Waiting>Opening…</Waiting>}>
        <Routes>
          <Route path="/draw/:code?" element={<Pad />} />
        </Routes>
      </Suspense>
    );
  }
  return <SignedIn />;
}

function SignedIn() {
  const queries = useQueryClient();
  const me = useQuery({ queryKey: ["me"], queryFn: () => must(api.GET("/api/session")), staleTime: 60_000 });
  const id = me.data?.id;
  useEffect(() => outbox.signedIn(id ?? ""), [id]);
  const who = me.data;
  useEffect(() => {
    if (!who) return;
    serverSaid(who.now_ms);
    void tidyCopies(who);
  }, [who]);
  // What a client's pages show is computed from the record; it is out of date
  // as soon as the record has grown.
  useEffect(
    () =>
      outbox.onReceived(() => {
        queries.removeQueries({ queryKey: ["course"], type: "inactive" });
        void queries.invalidateQueries({ queryKey: ["course"] });
        void queries.invalidateQueries({ queryKey: ["day"] });
      }),
    [queries],
  );
  if (me.error instanceof Problem && me.error.status === 401) {
    return (
      <SignIn
        onDone={(m) => {
          queries.removeQueries({ predicate: (q) => q.queryKey[0] !== "me" });
          queries.setQueryData(["me"], m);
        }}
      />
    );
  }
  if (me.error && !me.data) return <Trouble error={me.error} onRetry={() => me.refetch()} />;
  if (!me.data) return <Waiting>Opening…</Waiting>;
  const m = me.data;
  const signedOut = async () => {
    outbox.signedIn("");
    await forgetCopies();
    location.assign("/");
  };
  return (
    <Suspense fallback={<Waiting>Opening…</Waiting>}>
      <Routes>
        <Route path="/visits/:id/hold/:hold" element={<Hold me={m} />} />
        <Route
          path="/visits/:id/photo/:photo"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <PhotoRoom me={m} />
            </Shell>
          }
        />
        <Route path="/visits/:id/show" element={<Show me={m} />} />
        <Route
          path="/visits/:id/*"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <Visit me={m} />
            </Shell>
          }
        />
        <Route
          path="/atlas/:muscle?"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <Atlas />
            </Shell>
          }
        />
        <Route path="/guide/:muscle/:side" element={<Guide me={m} />} />
        <Route
          path="/spine"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <Spine me={m} />
            </Shell>
          }
        />
        <Route
          path="/clients"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <Clients me={m} />
            </Shell>
          }
        />
        <Route
          path="/clients/:id/:tab?"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <ClientPage me={m} />
            </Shell>
          }
        />
        {m.role === "owner" && (
          <Route
            path="/practice"
            element={
              <Shell me={m} onSignOut={signedOut}>
                <Practice me={m} />
              </Shell>
            }
          />
        )}
        <Route
          path="*"
          element={
            <Shell me={m} onSignOut={signedOut}>
              <Day me={m} />
            </Shell>
          }
        />
      </Routes>
    </Suspense>
  );
}
