// IEEE 1800-2017 clause 12.5: it is taken where nothing else fits
module t;
  task show(int n);
    case (n)
      default: $display("%0d is other", n);
      1, 2: $display("%0d is small", n);
    endcase
  endtask
  initial begin show(1); show(3); show(2); end
endmodule
//> 1 is small
//> 3 is other
//> 2 is small
