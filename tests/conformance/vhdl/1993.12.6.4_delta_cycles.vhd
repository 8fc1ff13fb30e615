-- IEEE 1076-1993 clause 12.6.4: signals take their values together, one delta later; variables at once
entity delta_cycles is end entity;
architecture test of delta_cycles is
  signal a, b, c : integer := 0;
begin
  b <= a + 1;
  c <= b + 1;
  process
    variable v : integer := 0;
  begin
    a <= 5;
    v := 5;
    report "a=" & integer'image(a) & " v=" & integer'image(v);
    wait for 0 ns;
    report "a=" & integer'image(a) & " b=" & integer'image(b) & " c=" & integer'image(c);
    wait for 0 ns;
    report "b=" & integer'image(b) & " c=" & integer'image(c);
    wait for 0 ns;
    report "c=" & integer'image(c);
    a <= 1; a <= 2;
    wait on a;
    report "last assignment counts: " & integer'image(a);
    wait;
  end process;
end architecture;
--> note: a=0 v=5
--> note: a=5 b=1 c=1
--> note: b=6 c=2
--> note: c=7
--> note: last assignment counts: 2
