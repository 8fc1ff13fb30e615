-- IEEE 1076-1993 clause 3.2.1: get their bounds from each object
entity t is end;
architecture a of t is
  type list is array (natural range <>) of integer;
  signal s : list(2 to 4) := (7, 8, 9);
begin
  process begin
    report integer'image(s(3)) & " " & integer'image(s'left) & " " & integer'image(s'length);
    wait;
  end process;
end;
--> note: 8 2 3
