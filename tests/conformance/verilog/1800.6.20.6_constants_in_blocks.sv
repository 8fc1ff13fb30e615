// IEEE 1800-2017 clause 6.20.6: a `const` begins with its value
module t;
  const int most = 3;
  initial begin
    $display("%0d", most + 1);
  end
endmodule
//> 4
