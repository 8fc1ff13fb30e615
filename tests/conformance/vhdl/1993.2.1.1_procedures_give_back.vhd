-- IEEE 1076-1993 clause 2.1.1: by parameters of mode out and inout
entity t is end;
architecture a of t is
  procedure step(n : inout integer; old : out integer) is
  begin
    old := n;
    n := n + 1;
  end;
begin
  process
    variable a, b : integer := 5;
  begin
    step(a, b);
    step(old => b, n => a);
    report integer'image(a) & integer'image(b);
    wait;
  end process;
end;
--> note: 76
