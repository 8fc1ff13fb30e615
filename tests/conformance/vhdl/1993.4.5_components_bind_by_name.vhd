-- IEEE 1076-1993 clause 4.5: to the entity that is called like them
entity m is port (x : in bit; y : out bit); end;
architecture a of m is
begin
  y <= not x;
end;
entity t is end;
architecture a of t is
  component m port (x : in bit; y : out bit); end component;
  signal p, q : bit;
begin
  u : m port map (p, q);
  process begin
    wait for 1 ns;
    report bit'image(q);
    wait;
  end process;
end;
--> note: '1'
