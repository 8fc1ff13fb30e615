-- IEEE 1076-1993 clause 8.8: or has an others arm
entity t is end;
architecture a of t is
  type state is (idle, run, done);
  signal s : state;
begin
  process (s) begin
    case s is --! not-covered
      when idle => report "idle";
      when run => report "run";
    end case;
  end process;
end;
