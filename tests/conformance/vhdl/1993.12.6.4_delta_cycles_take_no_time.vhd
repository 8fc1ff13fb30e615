-- IEEE 1076-1993 clause 12.6.4: but one follows the other
entity t is end;
architecture a of t is
  signal p, q, r : integer := 0;
begin
  q <= p + 1;
  r <= q + 1;
  process begin
    wait for 1 ns;
    report integer'image(r);
    p <= 10;
    wait for 0 ns;
    report integer'image(r);
    wait for 0 ns;
    wait for 0 ns;
    report integer'image(r) & integer'image(now / 1 ns);
    wait;
  end process;
end;
--> note: 2
--> note: 2
--> note: 121
