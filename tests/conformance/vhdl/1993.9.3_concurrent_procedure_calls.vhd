-- IEEE 1076-1993 clause 9.3: happen whenever an actual changes
entity t is end;
architecture a of t is
  signal s : integer := 0;
  procedure show(signal x : in integer) is
  begin
    report integer'image(x);
  end;
begin
  s <= 4 after 1 ns;
  show(s);
end;
--> note: 0
--> note: 4
