-- IEEE 1076-1993 clause 8.9: and are gone after the loop
entity t is end;
architecture a of t is
begin
  process
    variable i : integer := 42;
  begin
    for i in 0 to 1 loop
      null;
    end loop;
    report integer'image(i);
    wait;
  end process;
end;
--> note: 42
