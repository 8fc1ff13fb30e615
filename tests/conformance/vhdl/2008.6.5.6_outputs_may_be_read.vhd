-- IEEE 1076-2008 clause 6.5.6: inside of their entity
entity m is port (q : out integer); end;
architecture a of m is
begin
  q <= 3;
  process begin
    wait for 1 ns;
    report integer'image(q);
    wait;
  end process;
end;
entity t is end;
architecture a of t is
  signal s : integer;
begin
  u : entity work.m port map (s);
end;
--> note: 3
