-- IEEE 1076-1993 clause 8.5: := and the next statement sees it
entity t is end;
architecture a of t is
begin
  process
    variable v : integer := 1;
  begin
    v := v + 1;
    v := v * 5;
    report integer'image(v);
    wait;
  end process;
end;
--> note: 10
