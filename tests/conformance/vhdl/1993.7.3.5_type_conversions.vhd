-- IEEE 1076-1993 clause 7.3.5: between numeric types, with rounding
entity t is end;
architecture a of t is
  type small is range 0 to 100;
begin
  process
    variable s : small := 42;
  begin
    report integer'image(integer(s) + 1) & " " & integer'image(integer(2.6)) & " " & integer'image(integer(-0.4)) & " " & boolean'image(real(3) = 3.0);
    wait;
  end process;
end;
--> note: 43 3 0 true
