// IEEE 1800-2017 clause 12.5.4: the first range that holds is taken, unknown digits match nothing
module t;
  function automatic string grade(int n);
    case (n) inside
      [90:100]: return "a";
      [80:89], 79: return "b";
      [0:78]: return "c";
      default: return "none";
    endcase
  endfunction
  logic [3:0] v;
  initial begin
    $display("%s%s%s%s%s", grade(100), grade(79), grade(78), grade(0), grade(101));
    v = 4'b1x01;
    case (v) inside 4'b1001: $display("no"); 4'b1?01: $display("wild"); default: $display("default"); endcase
  end
endmodule
//> abccnone
//> wild
