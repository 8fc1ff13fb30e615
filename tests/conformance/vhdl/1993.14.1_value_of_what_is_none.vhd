-- IEEE 1076-1993 clause 14.1: ends the run
entity t is end;
architecture a of t is
begin
  process
    variable s : string(1 to 2) := "xy";
  begin
    report integer'image(integer'value(s)); --! run
    wait;
  end process;
end;
