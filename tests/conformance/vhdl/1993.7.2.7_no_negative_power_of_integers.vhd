-- IEEE 1076-1993 clause 7.2.7: ends the run
entity t is end;
architecture a of t is
begin
  process
    variable e : integer := -1;
  begin
    report integer'image(2 ** e); --! negative
    wait;
  end process;
end;
