-- IEEE 1076-1993 clause 4.2: values pass in both directions, checked
entity t is end;
architecture a of t is
  subtype digit is integer range 0 to 9;
begin
  process
    variable i : integer := 7;
    variable d : digit;
  begin
    d := i;
    i := d + 5;
    report integer'image(i);
    wait;
  end process;
end;
--> note: 12
