-- IEEE 1076-1993 clause 7.2.6: mod has the sign of the right operand, rem that of the left one
entity t is end;
architecture a of t is
begin
  process
    variable m : integer := -7;
    variable p : integer := 7;
  begin
    report integer'image(m mod 3) & " " & integer'image(m rem 3) & " " & integer'image(p mod (-3)) & " " & integer'image(p rem (-3)) & " " & integer'image(m / 2);
    wait;
  end process;
end;
--> note: 2 -1 -2 1 -3
