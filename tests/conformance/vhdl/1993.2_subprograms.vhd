-- IEEE 1076-1993 clause 2: overloading, defaults, named arguments, recursion, unconstrained and out parameters
entity subprograms is end entity;
architecture test of subprograms is
  function twice (n : integer) return integer is begin return 2 * n; end function;
  function twice (s : string) return string is begin return s & s; end function;
  function twice (b : boolean) return integer is begin return 99; end function;
  function fact (n : natural) return natural is
  begin
    if n <= 1 then return 1; end if;
    return n * fact(n - 1);
  end function;
  function "+" (a : string; n : integer) return string is begin return a & integer'image(n); end function;
  procedure add (a : in integer; b : in integer := 10; variable sum : out integer) is
  begin
    sum := a + b;
  end procedure;
  procedure swap (variable a, b : inout integer) is
    variable t : integer := a;
  begin
    a := b; b := t;
    return;
  end procedure;
  function bits (v : bit_vector) return natural is
    variable n : natural := 0;
    alias w : bit_vector(1 to v'length) is v;
  begin
    for i in w'range loop
      if w(i) = '1' then n := n + 1; end if;
    end loop;
    return n;
  end function;
  procedure pulse (signal s : out bit; length : time) is
  begin
    s <= '1';
    wait for length;
    s <= '0';
    wait for 0 ns;
  end procedure;
  signal line : bit := '0';
begin
  process
    variable x, y : integer;
    procedure count_up is begin x := x + 1; end procedure;
  begin
    report integer'image(twice(21)) & twice("ab") & integer'image(twice(true));
    report integer'image(fact(6)) & " " & ("n" + 5);
    add(1, 2, x); add(a => 5, sum => y);
    report integer'image(x) & " " & integer'image(y);
    swap(x, y);
    count_up;
    report integer'image(x) & " " & integer'image(y);
    report integer'image(bits("10110")) & " " & integer'image(bits("")) & " " & integer'image(bits(b"1111_0000"));
    pulse(line, 7 ns);
    report integer'image(now / 1 ns) & " " & bit'image(line) & " " & integer'image(line'last_event / 1 ns);
    wait;
  end process;
  process (line) begin
    if line'event then report "line " & bit'image(line) & " " & integer'image(now / 1 ns); end if;
  end process;
end architecture;
--> note: 42abab99
--> note: 720 n5
--> note: 3 15
--> note: 16 3
--> note: 3 0 4
--> note: line '1' 0
--> note: 7 '0' 0
--> note: line '0' 7
