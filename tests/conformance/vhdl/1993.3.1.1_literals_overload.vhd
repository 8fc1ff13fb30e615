-- IEEE 1076-1993 clause 3.1.1: the same literal of two types is told apart by what is wanted
entity t is end;
architecture a of t is
  type lamp is (red, green);
  type paint is (white, red);
  signal l : lamp := red;
  signal p : paint := red;
begin
  process begin
    report integer'image(lamp'pos(l)) & integer'image(paint'pos(p));
    wait;
  end process;
end;
--> note: 01
