-- IEEE 1076-1993 clause 3.1.3: units are multiples of the first one
entity t is end;
architecture a of t is
  type length is range 0 to 1000000
    units mm; cm = 10 mm; m = 100 cm; end units;
begin
  process
    variable l : length := 2 m + 5 cm;
  begin
    report integer'image(l / mm) & " " & integer'image(l / 1 cm);
    wait;
  end process;
end;
--> note: 2050 205
