-- IEEE 1076-1993 clause 14.1: signals that attributes make
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= '1' after 5 ns;
  process begin
    wait for 7 ns;
    report boolean'image(s'stable(3 ns)) & boolean'image(s'stable(1 ns));
    wait;
  end process;
end;
--> note: falsetrue
