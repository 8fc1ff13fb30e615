-- IEEE 1076-1993 clause 9.7 and -2008 clause 11.8: for, if, elsif, else and case generate, nested, with declarations
entity cell is
  port (a, b, c : in bit; s, co : out bit);
end entity;
architecture rtl of cell is
begin
  s <= a xor b xor c;
  co <= (a and b) or (c and (a xor b));
end architecture;
entity generates is end entity;
architecture test of generates is
  constant n : integer := 4;
  signal a, b, s : bit_vector(n - 1 downto 0);
  signal c : bit_vector(n downto 0);
  signal t : bit_vector(0 to 2);
begin
  row : for i in 0 to n - 1 generate
    signal inner : bit;
  begin
    first : if i = 0 generate
      c(0) <= '0';
    end generate;
    k : entity work.cell port map (a(i), b(i), c(i), inner, c(i + 1));
    s(i) <= inner;
  end generate row;
  alt : for i in t'range generate
    choose : if i = 0 generate
      t(i) <= '1';
    elsif i = 1 generate
      t(i) <= '0';
    else generate
      t(i) <= a(0);
    end generate choose;
  end generate;
  pick : case n generate
    when 1 | 2 => assert false report "small";
    when 3 to 5 => assert false report "middle" severity note;
    when others => assert false report "large";
  end generate;
  process begin
    a <= "0101"; b <= "0110";
    wait for 1 ns;
    report to_string(s) & " " & to_string(c) & " " & to_string(t);
    wait;
  end process;
end architecture;
--> note: middle
--> note: 1011 01000 101
