-- IEEE 1076-1993 clause 2.3.1: a function whose name is an operator
entity t is end;
architecture a of t is
  type pair is record
    x, y : integer;
  end record;
  function "+"(a, b : pair) return pair is
  begin
    return (a.x + b.x, a.y + b.y);
  end;
begin
  process
    variable p : pair := (1, 2);
  begin
    p := p + p + (10, 20);
    report integer'image(p.x) & " " & integer'image(p.y);
    wait;
  end process;
end;
--> note: 12 24
