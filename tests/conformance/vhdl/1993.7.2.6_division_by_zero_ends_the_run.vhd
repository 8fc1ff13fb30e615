-- IEEE 1076-1993 clause 7.2.6: of integers
entity t is end;
architecture a of t is
begin
  process
    variable z : integer := 0;
  begin
    report integer'image(1 / z); --! zero
    wait;
  end process;
end;
