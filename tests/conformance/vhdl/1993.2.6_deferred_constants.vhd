-- IEEE 1076-1993 clause 2.6: get their value in the package body
package p is
  constant c : integer;
end;
package body p is
  constant c : integer := 9;
end;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(work.p.c);
    wait;
  end process;
end;
--> note: 9
