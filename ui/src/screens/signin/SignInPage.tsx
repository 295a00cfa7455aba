// What stands at the door: the body on one side, a card with a form on the other.
import { type FormEvent, lazy, type ReactNode, Suspense, useEffect, useRef, useState } from "react";
import { styled } from "styled-components";
import { Card, Said } from "../../parts/layout";
import { painted } from "../../parts/painted";
import { Mark } from "../../parts/Mark";

const Figures = lazy(() => import("./Figures"));

/** The form does not wait for the body beside it, and the build has none to write down. */
function Beside() {
  const [wanted, setWanted] = useState(false);
  useEffect(() => void painted(() => setWanted(true)), []);
  return <Suspense fallback={null}>{wanted && <Figures />}</Suspense>;
}

const Room = styled.main`
  height: 100%;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(360px, 440px);
  align-items: center;
  gap: 32px;
  padding: 24px clamp(24px, 7vw, 110px);
  .figure {
    height: min(92vh, 900px);
    --body-ground: transparent;
    display: flex;
    gap: 0;
    justify-content: center;
  }
  form {
    display: grid;
    gap: 16px;
    margin-top: 20px;
  }
  h1 {
    display: flex;
    gap: 12px;
    align-items: center;
    font-size: 34px;
    color: var(--accent);
    margin-bottom: 8px;
  }
  @media (max-width: 860px) {
    grid-template-columns: minmax(0, 520px);
    justify-content: center;
    padding: 16px;
    .figure {
      display: none;
    }
  }
`;

interface Props {
  said: ReactNode;
  onSubmit?: (given: FormData) => void;
  children?: ReactNode;
}

/** A form that was sent before the script was here (prerender/write.mjs) is sent now. */
function useSentEarly() {
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    const page = document.documentElement;
    window.onsubmit = null;
    if (!form.current || page.dataset.sent === undefined) return;
    delete page.dataset.sent;
    form.current.requestSubmit();
  }, []);
  return form;
}

export function SignInPage({ said, onSubmit, children }: Props) {
  const form = useSentEarly();
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    onSubmit?.(new FormData(e.currentTarget));
  };
  return (
    <Room>
      <div className="figure" aria-hidden>
        <Beside />
      </div>
      <Card>
        <h1>
          <Mark />
          Mokren
        </h1>
        <p className="quiet">{said}</p>
        {onSubmit && (
          <form ref={form} method="post" onSubmit={submit} noValidate>
            {children}
          </form>
        )}
        <Said className="quiet" $small>
          Mokren supports licensed practice and does not diagnose. Local law and your scope of practice come
          first.
        </Said>
      </Card>
    </Room>
  );
}
