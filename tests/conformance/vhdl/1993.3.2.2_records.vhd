-- IEEE 1076-1993 clause 3.2.2: elements by name
entity t is end;
architecture a of t is
  type point is record
    x, y : integer;
  end record;
  signal p : point := (x => 3, y => 4);
begin
  process begin
    report integer'image(p.x * p.x + p.y * p.y);
    wait;
  end process;
end;
--> note: 25
