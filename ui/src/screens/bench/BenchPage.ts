// The page of the bench: a column, or two beside each other where there is room.
import { styled } from "styled-components";
import { upright } from "../../theme";

export const BenchPage = styled.div`
  max-width: 1180px;
  margin: 0 auto;
  padding: 22px 28px 60px;
  display: grid;
  gap: 18px;
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
    gap: 18px;
    align-items: start;
  }
  .body {
    height: 520px;
  }
  ${upright} {
    padding: 16px 14px 40px;
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
