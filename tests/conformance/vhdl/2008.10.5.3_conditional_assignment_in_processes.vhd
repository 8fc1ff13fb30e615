-- IEEE 1076-2008 clause 10.5.3: when and else among statements
entity t is end;
architecture a of t is
begin
  process
    variable i : integer := 4;
    variable s : integer;
  begin
    s := 1 when i > 3 else 0;
    report integer'image(s);
    wait;
  end process;
end;
--> note: 1
