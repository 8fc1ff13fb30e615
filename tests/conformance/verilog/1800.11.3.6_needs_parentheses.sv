// IEEE 1800-2017 clause 11.3.6: an assignment inside an expression stands in parentheses
module t;
  int a, b;
  initial begin
    b = 1;
    if (a = b) $display("no"); //! assign-for-compare
  end
endmodule
