-- IEEE 1076-1993 clause 3.1.4: reals are compared and computed like numbers
entity t is end;
architecture a of t is
begin
  process
    variable r : real := 2.5;
  begin
    report boolean'image(r * 2.0 = 5.0) & " " & integer'image(integer(r + 0.1));
    wait;
  end process;
end;
--> note: true 3
