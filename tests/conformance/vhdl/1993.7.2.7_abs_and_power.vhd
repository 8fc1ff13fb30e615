-- IEEE 1076-1993 clause 7.2.7: and unary minus binds less than **
entity t is end;
architecture a of t is
begin
  process
    variable m : integer := -3;
  begin
    report integer'image(abs m) & " " & integer'image(-2 ** 2) & " " & integer'image(2 ** 10);
    wait;
  end process;
end;
--> note: 3 -4 1024
