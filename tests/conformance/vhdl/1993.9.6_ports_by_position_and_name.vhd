-- IEEE 1076-1993 clause 9.6: and some left open
entity m is
  port (x : in bit; y : in bit := '1'; z : out bit);
end;
architecture a of m is
begin
  z <= x and y;
end;
entity t is end;
architecture a of t is
  signal p : bit := '1';
  signal q : bit;
begin
  u : entity work.m port map (p, z => q);
  process begin
    wait for 1 ns;
    report bit'image(q);
    wait;
  end process;
end;
--> note: '1'
