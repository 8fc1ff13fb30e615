-- IEEE 1076-1993 clause 10.4: leaves the others where they are
package p is
  constant a1 : integer := 1;
  constant b1 : integer := 2;
end;
use work.p.a1;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(a1);
    report integer'image(b1); --! undeclared
    wait;
  end process;
end;
