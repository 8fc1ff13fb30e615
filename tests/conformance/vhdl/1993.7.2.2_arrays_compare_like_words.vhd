-- IEEE 1076-1993 clause 7.2.2: from the left, and the shorter one is less
entity t is end;
architecture a of t is
begin
  process begin
    report boolean'image(string'("abc") < string'("abd")) & boolean'image(string'("ab") < string'("abc"))
      & boolean'image(bit_vector'("10") > bit_vector'("011")) & boolean'image(bit_vector'("1") = bit_vector'("01"));
    wait;
  end process;
end;
--> note: truetruetruefalse
