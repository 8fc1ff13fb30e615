-- IEEE 1076-2008 clause 11.3: wakes for everything that is read
entity t is end;
architecture a of t is
  signal p, q : integer := 1;
  signal r : integer;
begin
  process (all) begin
    r <= p + q;
  end process;
  process begin
    wait for 1 ns;
    q <= 5;
    wait for 1 ns;
    report integer'image(r);
    wait;
  end process;
end;
--> note: 6
