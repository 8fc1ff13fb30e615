-- IEEE 1076-1993 clause 7.3.2: and others for the rest
entity t is end;
architecture a of t is
  type list is array (1 to 5) of integer;
  signal p : list := (7, 8, others => 0);
  signal q : list := (5 => 1, 2 | 3 => 2, others => 9);
begin
  process begin
    report integer'image(p(1)) & integer'image(p(2)) & integer'image(p(5)) & " " & integer'image(q(1)) & integer'image(q(2)) & integer'image(q(3)) & integer'image(q(5));
    wait;
  end process;
end;
--> note: 780 9221
