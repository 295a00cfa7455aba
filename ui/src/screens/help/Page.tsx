// One page of the help.
import { styled } from "styled-components";
import { Bullets } from "../../parts/layout";
import { unbroken } from "../../parts/words";
import { Drawing } from "./Drawing";
import type { HelpPage } from "./pages";

const Text = styled.article`
  display: grid;
  gap: var(--s2);
  line-height: 1.45;
  max-width: 72ch;
  h3 {
    margin-top: var(--s2);
  }
  @media print {
    break-inside: avoid;
  }
`;

export function Page({ p, as = "h2" }: { p: HelpPage; as?: "h2" | "h3" }) {
  const Title = as;
  return (
    <Text data-help={p.id}>
      <Title>{p.title}</Title>
      <p>{p.what}</p>
      {p.drawing && <Drawing d={p.drawing} />}
      <Part title="How it is done well" list={p.how} />
      <Part title="Keys and pedal" list={p.keys} />
      <Part title="What the numbers mean" list={p.numbers} />
      <p className="quiet small">{p.sources}</p>
    </Text>
  );
}

function Part({ title, list }: { title: string; list: string[] }) {
  if (list.length === 0) return null;
  return (
    <section>
      <h3>{title}</h3>
      <Bullets>
        {list.map((x) => (
          <li key={x}>{unbroken(x)}</li>
        ))}
      </Bullets>
    </section>
  );
}
