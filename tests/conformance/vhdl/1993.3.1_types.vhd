-- IEEE 1076-1993 clauses 3.1 to 3.2 and 7.3.5: own scalar types, subtypes, physical units, reals, conversions, arrays of arrays, records in records
entity types is end entity;
architecture test of types is
  type length is range 0 to 1000000 units um; mm = 1000 um; cm = 10 mm; end units;
  type small is range -8 to 7;
  type ratio is range 0.0 to 10.0;
  type byte is array (7 downto 0) of bit;
  type bytes is array (0 to 2) of byte;
  type inner is record a : bit; b : byte; end record;
  type outer is record i : inner; n : small; list : bytes; end record;
  signal o : outer;
begin
  process
    variable l : length := 3 cm;
    variable s : small := 5;
    variable r : ratio := 2.5;
    variable x : real := 1.0e3;
    variable v : outer;
    variable t : time := 1 us;
  begin
    report integer'image(l / mm) & " " & integer'image((l + 2 mm) / 1 um) & " " & length'image(2 mm);
    report small'image(s - 7) & " " & integer'image(integer(s) * 10) & " " & integer'image(integer(r)) & " " & integer'image(integer(3.5)) & " " & integer'image(integer(-2.5));
    report real'image(x / 3.0) & " " & real'image(2.0) & " " & real'image(real(7) ** 2);
    report integer'image((-7) / 2) & " " & integer'image((-7) mod 3) & " " & integer'image((-7) rem 3) & " " & integer'image(7 mod (-3)) & " " & integer'image(2 ** 10);
    report integer'image(t / 1 ns) & " " & integer'image((t * 3) / 1 ns) & " " & integer'image((t / 4) / 1 ns) & " " & boolean'image(1 ms > 999 us) & " " & integer'image((2.5 * ns) / 1 ps);
    v.i.b := x"5A";
    v.i.b(0) := '1';
    v.list(1)(7 downto 4) := "1001";
    v.n := -3;
    o <= v;
    o.i.a <= '1';
    wait for 0 ns;
    report to_string(bit_vector(o.i.b)) & " " & to_string(bit_vector(o.list(1))) & " " & bit'image(o.i.a) & " " & small'image(o.n);
    report boolean'image(o = v) & boolean'image(v.list(0) = v.list(2)) & boolean'image(byte'(x"10") < byte'(x"11"));
    wait;
  end process;
end architecture;
--> note: 30 32000 2000 um
--> note: -2 50 3 4 -3
--> note: 333.3333333333333 2.0 49.0
--> note: -3 2 -1 -2 1024
--> note: 1000 3000 250 true 2500
--> note: 01011011 10010000 '1' -3
--> note: falsetruetrue
