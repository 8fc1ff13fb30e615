-- IEEE 1076-1993 clauses 9.1 and 9.5: blocks, guards, guarded signals that let go
entity blocks_and_guards is end entity;
architecture test of blocks_and_guards is
  type bits is array (natural range <>) of bit;
  function wired_or (v : bits) return bit is
  begin
    for i in v'range loop
      if v(i) = '1' then return '1'; end if;
    end loop;
    return '0';
  end function;
  subtype line is wired_or bit;
  signal en, d : bit := '0';
  signal q : bit;
  signal b : line bus;
begin
  latch : block (en = '1')
    signal inner : bit;
  begin
    inner <= guarded d;
    q <= inner;
    b <= guarded d;
  end block latch;
  process begin
    d <= '1'; wait for 1 ns;
    report bit'image(q) & bit'image(b);
    en <= '1'; wait for 1 ns;
    report bit'image(q) & bit'image(b);
    en <= '0'; wait for 1 ns;
    report bit'image(q) & bit'image(b);
    d <= '0'; wait for 1 ns;
    report bit'image(q);
    wait;
  end process;
end architecture;
--> note: '0''0'
--> note: '1''1'
--> note: '1''0'
--> note: '1'
