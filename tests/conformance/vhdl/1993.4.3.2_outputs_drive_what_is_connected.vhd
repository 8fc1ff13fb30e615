-- IEEE 1076-1993 clause 4.3.2: a port of mode out
entity m is port (q : out bit); end;
architecture a of m is
begin
  q <= '1';
end;
entity t is end;
architecture a of t is
  signal s : bit;
begin
  u : entity work.m port map (s);
  process begin
    wait for 1 ns;
    report bit'image(s);
    wait;
  end process;
end;
--> note: '1'
