-- IEEE 1076-1993 clause 2.5: with whoever uses them
package p is
  constant width : integer := 6;
  function twice(i : integer) return integer;
end;
package body p is
  function twice(i : integer) return integer is
  begin
    return 2 * i;
  end;
end;
use work.p.all;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(twice(width));
    wait;
  end process;
end;
--> note: 12
