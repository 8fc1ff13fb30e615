-- IEEE 1076-1993 clause 14.1: 'delayed and 'transaction are signals
entity delayed is end entity;
architecture test of delayed is
  signal s : integer := 0;
begin
  s <= 1 after 10 ns, 2 after 20 ns, 2 after 30 ns;
  process (s'delayed(3 ns)) begin
    report "later " & integer'image(s'delayed(3 ns)) & " " & integer'image(now / 1 ns);
  end process;
  process (s'transaction) begin
    if now > 0 ns then report "given " & integer'image(now / 1 ns); end if;
  end process;
  process begin
    wait for 10 ns;
    wait on s'delayed;
    report "one delta late " & integer'image(now / 1 ns);
    wait;
  end process;
end architecture;
--> note: later 0 0
--> note: given 10
--> note: one delta late 10
--> note: later 1 13
--> note: given 20
--> note: later 2 23
--> note: given 30
