-- IEEE 1076-1993 clause 2.4: are called with all drivers
entity t is end;
architecture a of t is
  type list is array (natural range <>) of integer;
  function sum(x : list) return integer is
    variable n : integer := 0;
  begin
    for i in x'range loop
      n := n + x(i);
    end loop;
    return n;
  end;
  signal s : sum integer := 0;
begin
  s <= 3;
  s <= 4;
  process begin
    wait for 1 ns;
    report integer'image(s);
    wait;
  end process;
end;
--> note: 7
