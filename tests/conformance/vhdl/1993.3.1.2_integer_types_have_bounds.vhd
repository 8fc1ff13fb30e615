-- IEEE 1076-1993 clause 3.1.2: a value outside ends the run
entity t is end;
architecture a of t is
  type small is range 0 to 7;
begin
  process
    variable v : small := 7;
  begin
    v := v + 1; --! outside
    wait;
  end process;
end;
