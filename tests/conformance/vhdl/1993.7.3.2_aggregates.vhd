-- IEEE 1076-1993 clause 7.3.2: by position, by name, ranges, others, nested, and as targets
entity aggregates is end entity;
architecture test of aggregates is
  type vec is array (natural range <>) of integer;
  type pair is record
    x, y : integer;
  end record;
  type grid is array (0 to 1, 0 to 2) of integer;
  type pairs is array (1 to 2) of pair;
  constant a : vec(0 to 4) := (1, 2, others => 9);
  constant b : vec(4 downto 0) := (4 => 1, 2 downto 1 => 7, others => 0);
  constant g : grid := ((1, 2, 3), (4, 5, 6));
  constant p : pairs := (1 => (x => 1, y => 2), 2 => (3, 4));
  constant s : string(1 to 5) := (1 => 'a', 3 | 5 => 'c', others => '-');
  constant e : vec := (5 => 50, 6 => 60);
  signal h, l : bit_vector(1 downto 0);
begin
  process
    variable q : pair;
    variable m, n : integer;
    variable one : vec(0 to 0) := (0 => 8);
    variable c : bit;
    variable t : bit_vector(2 downto 0);
  begin
    for i in a'range loop report integer'image(a(i)) & " " & integer'image(b(i)); end loop;
    report integer'image(g(1, 0)) & integer'image(g(0, 2)) & " " & integer'image(p(2).x) & " " & s;
    report integer'image(e'left) & " " & integer'image(e'right) & " " & integer'image(e(6)) & " " & integer'image(one(0));
    q := (y => 5, x => 6);
    (m, n) := vec'(q.y, q.x);
    report integer'image(m) & integer'image(n);
    (c, t) := bit_vector'("1011");
    report bit'image(c) & " " & to_string(t);
    (h, l) <= bit_vector'("1001");
    wait for 0 ns;
    report to_string(h) & " " & to_string(l);
    q := (others => 3);
    report integer'image(q.x + q.y);
    wait;
  end process;
end architecture;
--> note: 1 0
--> note: 2 7
--> note: 9 7
--> note: 9 0
--> note: 9 1
--> note: 43 3 a-c-c
--> note: 5 6 60 8
--> note: 56
--> note: '1' 011
--> note: 10 01
--> note: 6
