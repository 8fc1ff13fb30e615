-- IEEE 1076-1993 clause 14.1: beyond the last value there is none
entity t is end;
architecture a of t is
  type state is (idle, run);
begin
  process
    variable s : state := run;
  begin
    report state'image(state'succ(s)); --! run
    wait;
  end process;
end;
