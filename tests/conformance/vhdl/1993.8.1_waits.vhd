-- IEEE 1076-1993 clause 8.1: wait on, until, for, together and alone
entity waits is end entity;
architecture test of waits is
  signal clk, go : bit := '0';
  signal n : integer := 0;
begin
  clk <= '1' after 10 ns, '0' after 20 ns, '1' after 30 ns, '0' after 40 ns;
  go <= '1' after 25 ns;
  p : process begin
    wait until clk = '1';
    report "first " & integer'image(now / 1 ns);
    wait until clk = '1' and go = '1';
    report "second " & integer'image(now / 1 ns);
    wait on clk for 100 ns;
    report "third " & integer'image(now / 1 ns);
    wait on clk for 100 ns;
    report "fourth " & integer'image(now / 1 ns);
    wait until n = 3 for 10 ns;
    report "fifth " & integer'image(now / 1 ns);
    wait until true for 5 ns;
    report "sixth " & integer'image(now / 1 ns);
    wait;
  end process;
end architecture;
--> note: first 10
--> note: second 30
--> note: third 40
--> note: fourth 140
--> note: fifth 150
--> note: sixth 155
