// One's own account: password, second factor, where one is signed in; and what the
// program is made of.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { phone } from "../../theme";
import { Devices } from "./Devices";
import { Password } from "./Password";
import { Factor } from "./Factor";

const Room = styled.div`
  max-width: 760px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  ${phone} {
    padding: 16px 12px 40px;
  }
`;

const Small = styled.p`
  color: var(--ink-soft);
  font-size: 0.875rem;
`;

export default function Own({ me }: { me: Schemas["Me"] }) {
  return (
    <Room>
      <h1>{me.name}</h1>
      <Password />
      <Factor />
      <Devices zone={me.time_zone} />
      <Small>
        Mokren is made from the work of many. <a href="/licences.txt">Read their licences</a>.
      </Small>
    </Room>
  );
}
