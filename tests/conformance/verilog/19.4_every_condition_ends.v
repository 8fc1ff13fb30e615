// IEEE 1364-2005 clause 19.4: an endif is missing
`ifdef a //! open-ifdef
module t;
endmodule
